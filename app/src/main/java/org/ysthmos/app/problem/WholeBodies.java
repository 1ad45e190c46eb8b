package org.ysthmos.app.problem;

import java.lang.reflect.AnnotatedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.HttpStatus;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/** Refuses bodies that lack what is needed: each part of a record that may not be null. */
@RestControllerAdvice
class WholeBodies extends RequestBodyAdviceAdapter {

  @Override
  public boolean supports(
      MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
    return true;
  }

  @Override
  public Object afterBodyRead(
      Object body,
      HttpInputMessage message,
      MethodParameter parameter,
      Type type,
      Class<? extends HttpMessageConverter<?>> converter) {
    check(body, "");
    return body;
  }

  private static void check(@Nullable Object value, String at) {
    if (value instanceof List<?> list) {
      for (int i = 0; i < list.size(); i++) {
        check(list.get(i), at + i + "/");
      }
    } else if (value instanceof Record whole) {
      for (RecordComponent part : whole.getClass().getRecordComponents()) {
        checkPart(whole, part, at);
      }
    }
  }

  private static void checkPart(Record whole, RecordComponent part, String at) {
    Object value = valueOf(whole, part);
    AnnotatedType type = part.getAnnotatedType();
    if (value == null && !type.isAnnotationPresent(Nullable.class)) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "Something is missing",
          "In the body “" + at + part.getName() + "” is missing.");
    }
    check(value, at + part.getName() + "/");
  }

  private static @Nullable Object valueOf(Record whole, RecordComponent part) {
    try {
      part.getAccessor().setAccessible(true);
      return part.getAccessor().invoke(whole);
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException("a part of a body cannot be read: " + part.getName(), e);
    }
  }
}
